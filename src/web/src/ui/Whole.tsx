import { Component, type ReactNode } from 'react';
import { Button } from './button';

interface Props {
  children: ReactNode;
  /** The address; what went wrong at one is not shown at another. */
  at: string;
}

interface State {
  error: Error | null;
  at: string;
}

const TRIED = 'blue-dawn-loaded-again';

/** A part of the program that is not there any more: a newer version has taken its place on the server. */
const isGone = (error: Error): boolean =>
  /dynamically imported module|importing a module|module script|preload/i.test(error.message);

/** Loads the page again by itself, once: what is typed is kept on the device. */
function loadOnceMore(): boolean {
  try {
    if (sessionStorage.getItem(TRIED)) return false;
    sessionStorage.setItem(TRIED, 'yes');
  } catch {
    return false;
  }
  window.location.reload();
  return true;
}

/** Whatever goes wrong while a page is drawn: never a white page. */
export class Whole extends Component<Props, State> {
  override state: State = { error: null, at: this.props.at };

  static getDerivedStateFromError(error: Error): Partial<State> {
    return { error };
  }

  static getDerivedStateFromProps({ at }: Props, state: State): Partial<State> | null {
    return at === state.at ? null : { error: null, at };
  }

  override componentDidCatch(error: Error): void {
    if (isGone(error) && navigator.onLine) loadOnceMore();
  }

  override componentDidMount(): void {
    setTimeout(() => {
      try {
        if (!this.state.error) sessionStorage.removeItem(TRIED);
      } catch {
        // Nothing to take back.
      }
    }, 5_000);
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    const gone = isGone(error);
    return (
      <div role="alert" className="border-bad bg-sheet m-5 max-w-xl rounded-xl border-2 p-5">
        <h2 className="text-title">{gone ? 'This page cannot be loaded.' : 'Something went wrong on this page.'}</h2>
        <p className="mt-1">
          {gone
            ? 'The server does not answer, or it has a newer version. What you typed is kept on this device.'
            : 'What you typed is kept on this device. Load the page again; if it stays, say what you did to whoever looks after the server.'}
        </p>
        {!gone && <p className="text-mute num mt-2 text-note break-words">{error.message}</p>}
        <div className="mt-4 flex gap-3">
          <Button look="hands" onClick={() => window.location.reload()}>
            Load it again
          </Button>
          <Button onClick={() => this.setState({ error: null })}>Try without</Button>
        </div>
      </div>
    );
  }
}
