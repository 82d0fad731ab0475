import { Component, type ReactNode } from "react";

import { Button } from "../ui/Button";
import { Instead } from "./Instead";
import { Shell } from "./Shell";

interface Props {
  /** The address that is shown: at another one it is tried again. */
  at: string;
  children: ReactNode;
}

/** Stands in for a view that broke, or whose file could not be fetched. */
export class Unopened extends Component<Props, { broke: boolean }> {
  override state = { broke: false };

  static getDerivedStateFromError() {
    return { broke: true };
  }

  override componentDidCatch(fault: unknown) {
    reportError(fault);
  }

  override componentDidUpdate(before: Props) {
    if (this.state.broke && before.at !== this.props.at) this.setState({ broke: false });
  }

  override render() {
    if (!this.state.broke) return this.props.children;
    return (
      <Shell title="Not opened">
        <Instead
          title="This view did not open"
          words="Nothing typed is lost. Check that Swap Glow is running, then load the page again."
        >
          <Button onPress={() => location.reload()}>Load the page again</Button>
        </Instead>
      </Shell>
    );
  }
}
