import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { posted, type AskedGrid, type Pasted } from '../../api/client';
import { FileButton } from '../../app/FileButton';

interface Props {
  grid: AskedGrid;
  draftId: number;
  /** The row the cursor is in is taken out, or one put in above it. */
  onTakeOut: () => void;
  onInsert: () => void;
  onPaste: (text: string) => void;
  onRead: (read: Promise<Pasted>) => void;
}

/** What else can be done with a table: rows put in and out, a table pasted, or read from a file. */
export function GridTools({ grid, draftId, onTakeOut, onInsert, onPaste, onRead }: Props) {
  const [pasting, setPasting] = useState(false);
  const read = (file: File) => {
    const form = new FormData();
    form.append('file', file);
    form.append('table', grid.path);
    onRead(posted<Pasted>(`/api/sheet-drafts/${draftId}/file`, form));
  };
  return (
    <>
      <div className="grid-tools">
        {grid.names.length === 0 && (
          <>
            <Button variant="outline-secondary" onClick={onInsert}>
              Put a row in here
            </Button>
            <Button variant="outline-secondary" onClick={onTakeOut}>
              Take the row out
            </Button>
          </>
        )}
        <Button variant="outline-secondary" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste a table
        </Button>
        <FileButton label={`File for ${grid.label}`} accept=".csv,.xlsx,text/csv" off={false} onFile={read}>
          From a file
        </FileButton>
      </div>
      {pasting && (
        <PasteBox
          onPaste={(text) => {
            onPaste(text);
            setPasting(false);
          }}
        />
      )}
    </>
  );
}

/** Where there is no clipboard to be had by keys: a tablet, a page without TLS. */
function PasteBox({ onPaste }: { onPaste: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <div className="paste-box">
      <label>
        Rows as they come from a spreadsheet or the text of a PDF; a line of headings above puts the columns
        in order
        <textarea rows={6} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      <Button variant="outline-primary" disabled={!text.trim()} onClick={() => onPaste(text)}>
        Put them into the table
      </Button>
    </div>
  );
}
