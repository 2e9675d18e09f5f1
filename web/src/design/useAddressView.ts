import { useSearchParams } from 'react-router';

/** What a list shows, held by the address, so that it can be kept, sent and gone back to. */
export function useAddressView() {
  const [search, setSearch] = useSearchParams();
  const text = search.toString();
  const changeAll = (values: Record<string, string | boolean>) =>
    setSearch(
      () => {
        // Of two changes at once the second begins with the first, which may not be drawn yet.
        const next = new URLSearchParams(window.location.search);
        for (const [name, value] of Object.entries(values)) {
          if (value === true) next.set(name, 'yes');
          else if (value) next.set(name, value);
          else next.delete(name);
        }
        return next;
      },
      { replace: true },
    );
  return {
    get: (name: string, usual = '') => search.get(name) ?? usual,
    is: (name: string) => search.get(name) === 'yes',
    change: (name: string, value: string | boolean) => changeAll({ [name]: value }),
    /** Several at once: one change after another would take the first back. */
    changeAll,
    /** What links to other records of the list carry along. */
    tail: text ? `?${text}` : '',
  };
}
