interface Props {
  caption: string;
  head: string[];
  rows: string[][];
}

/** A ruled table of plain cells; the first of each row names it. */
export function Table({ caption, head, rows }: Props) {
  return (
    <table className="ruled">
      <caption>{caption}</caption>
      {head.some(Boolean) && (
        <thead>
          <tr>
            {head.map((name, i) => (
              <th scope="col" key={i}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row, i) => (
          <tr key={i}>
            {row.map((cell, j) =>
              j === 0 ? (
                <th scope="row" key={j}>
                  {cell}
                </th>
              ) : (
                <td key={j}>{cell}</td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
