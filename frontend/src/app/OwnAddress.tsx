const LOCAL = /^(localhost|127\.|\[::1\])/;

/** Where what is given out leads to: the address this page was opened by. One of this computer alone leads nobody else anywhere. */
export function OwnAddress({ what }: { what: string }) {
  const { hostname, origin } = window.location;
  if (LOCAL.test(hostname))
    return (
      <p className="notice">
        {what} begins with {origin}, which is this computer’s own name for itself: it opens nowhere else. Open
        this page by the server’s name in the network first.
      </p>
    );
  return (
    <p className="quiet">
      {what} begins with {origin}.
    </p>
  );
}
