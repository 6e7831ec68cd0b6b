import { Button } from 'react-bootstrap';
import { csrfToken } from '../api/client';

/** Everything out, as open files. The browser saves the archive by itself. */
export function Leaving() {
  return (
    <section className="panel" aria-label="Everything out">
      <h2>Everything out</h2>
      <p>
        One archive of open files: every row as JSON, tables as CSV, photographs, and every signed job with
        its report as PDF. It can be put back into an empty works.
      </p>
      <p className="quiet">
        It holds the hashes of passwords and PINs, in one file that says so. Keep it as you keep a key.
      </p>
      <form method="post" action="/works.zip">
        <input type="hidden" name="csrfmiddlewaretoken" value={csrfToken()} />
        <Button type="submit" variant="outline-primary">
          Take everything out
        </Button>
      </form>
    </section>
  );
}
