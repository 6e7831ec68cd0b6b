import { useRef, type ReactNode } from 'react';
import { Button } from 'react-bootstrap';

interface Props {
  /** What the file is, for who does not see the button. */
  label: string;
  accept: string;
  off: boolean;
  onFile: (file: File) => void;
  size?: 'lg';
  children: ReactNode;
}

/** A button that has a file chosen; the same file can be chosen again. */
export function FileButton({ label, accept, off, onFile, size, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="visually-hidden"
        tabIndex={-1}
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = '';
        }}
      />
      <Button
        {...(size ? { size } : { variant: 'outline-primary' })}
        disabled={off}
        onClick={() => input.current?.click()}
      >
        {children}
      </Button>
    </>
  );
}
