import { PageHeading } from './PageHeading';
import { Component, type ReactNode } from 'react';

interface Props {
  /** The address of the page: at another one, it is tried anew. */
  readonly at: string;
  readonly children: ReactNode;
}
interface State {
  readonly at: string;
  readonly broken: boolean;
}

/** Says that a page broke, or that its code did not come, and leaves the rest of Avrelle standing. */
export class Boundary extends Component<Props, State> {
  override state: State = { at: this.props.at, broken: false };

  static getDerivedStateFromError(): Partial<State> {
    return { broken: true };
  }

  static getDerivedStateFromProps({ at }: Props, state: State): State | null {
    return at === state.at ? null : { at, broken: false };
  }

  override render(): ReactNode {
    if (!this.state.broken) return this.props.children;
    return (
      <main className="p-8">
        <PageHeading>This page did not open</PageHeading>
        <p role="alert" className="mt-2 max-w-[60ch] text-soft">
          Its code did not come from the server, or something in it broke. Look whether there is a connection, then load
          it again: what was kept or written down is not lost.
        </p>
        <button className="press mt-4" onClick={() => location.reload()}>
          Load again
        </button>
      </main>
    );
  }
}
