/** Catches what breaks on a page, a part that cannot be fetched without signal among it; there is always a way out. */
import { Component, type ReactNode } from "react";
import { setAllAside } from "../lib/store";
import { Button } from "../ui/controls";
import { Failed, WaysOut } from "./states";
import { words } from "./strings";

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
    return (
      <>
        <Failed error={this.state.error} again={() => this.setState({ error: null })} />
        <div className="mx-4">
          <WaysOut />
        </div>
        <Button
          look="quiet"
          className="m-4 self-start"
          onClick={() => {
            setAllAside("draft:", "day:", "bench");
            window.location.reload();
          }}
        >
          {words.setAllAside}
        </Button>
      </>
    );
  }
}
