/** Catches what breaks on a page, a part that cannot be fetched without signal among it. */
import { Component, type ReactNode } from "react";
import { Failed } from "./states";

interface State {
  error: unknown;
}

export class Boundary extends Component<{ children: ReactNode }, State> {
  override state: State = { error: null };

  static getDerivedStateFromError(error: unknown): State {
    return { error };
  }

  override render() {
    if (this.state.error === null) return this.props.children;
    return <Failed error={this.state.error} again={() => this.setState({ error: null })} />;
  }
}
