import { Component, type ReactNode } from "react";

interface Props {
  /** What stands in it, as people call it. */
  what: string;
  children: ReactNode;
}

/** Where a part of the page fails, the others stay; the song is the server's, so nothing is lost. */
export class Guard extends Component<Props, { fault: string | null }> {
  state = { fault: null };

  static getDerivedStateFromError(error: unknown): { fault: string } {
    return { fault: error instanceof Error ? error.message : String(error) };
  }

  render(): ReactNode {
    if (this.state.fault === null) return this.props.children;
    return (
      <div role="alert" className="grid justify-items-start gap-2 p-3">
        <p>
          {this.props.what} could not be shown: {this.state.fault} The song itself is safe.
        </p>
        <button type="button" className="btn btn-sm" onClick={() => this.setState({ fault: null })}>
          Show it again
        </button>
      </div>
    );
  }
}
