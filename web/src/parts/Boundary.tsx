import { Component, type ReactNode } from 'react';

/** Keeps what fails within it from taking the rest of the page along; another `of` begins anew. */
export class Boundary extends Component<
  { readonly of: unknown; readonly instead: (why: string) => ReactNode; readonly children: ReactNode },
  { why: string | undefined }
> {
  override state: { why: string | undefined } = { why: undefined };

  static getDerivedStateFromError(error: unknown): { why: string } {
    return { why: error instanceof Error ? error.message : String(error) };
  }

  override componentDidUpdate(before: { readonly of: unknown }): void {
    if (before.of !== this.props.of && this.state.why !== undefined) this.setState({ why: undefined });
  }

  override render(): ReactNode {
    return this.state.why === undefined ? this.props.children : this.props.instead(this.state.why);
  }
}
