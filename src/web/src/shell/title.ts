import { useEffect, useId } from 'react';

const HOME = 'Blue Dawn';
const titles = new Map<string, { text: string; calls: boolean }>();

function show(): void {
  const said = [...titles.values()];
  document.title = (said.findLast((title) => title.calls) ?? said.at(-1))?.text ?? HOME;
}

/**
 * What stands in the browser's tab while this is on the page. A call, such as a bath whose time is up, stands before
 * everything else and comes back when a page changes its own title.
 */
export function useTitle(text: string | null, calls = false): void {
  const id = useId();
  useEffect(() => {
    if (text) titles.set(id, { text, calls });
    show();
    return () => {
      titles.delete(id);
      show();
    };
  }, [id, text, calls]);
}
