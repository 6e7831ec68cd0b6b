import { useSearchParams } from 'react-router';

/** What a page is asked for stands in its address: it can be kept, sent to somebody, and gone back to. */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  const put = (name: string, value: string) =>
    setParams(
      (now) => {
        const next = new URLSearchParams(now);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  return { params, put };
}
