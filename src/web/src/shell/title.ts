import { useEffect, useId } from 'react';

const HOME = 'Blue Dawn';
const titles = new Map<string, { text: string; calls: boolean }>();

function show(): void {
  const said = [...titles.values()];
  const page = said.findLast((title) => !title.calls)?.text ?? HOME;
  const mark = said.findLast((title) => title.calls)?.text;
  document.title = mark ? `${mark} ${page}` : page;
}

/**
 * What stands in the browser's tab while this is on the page. A call, such as a bath whose time is up, puts a mark before
 * it; the page keeps its title.
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
