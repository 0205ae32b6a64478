import { Component, type ReactNode } from 'react';
import { Notice } from '../components/Notice';

interface ReadoutGuardProps {
  /** What is drawn: once it is another, drawing is tried again. */
  readonly of: unknown;
  readonly children: ReactNode;
}

interface ReadoutGuardState {
  readonly error: Error | null;
  readonly of: unknown;
}

/** Keeps one readout that cannot be drawn from taking the whole board with it. */
export class ReadoutGuard extends Component<ReadoutGuardProps, ReadoutGuardState> {
  override state: ReadoutGuardState = { error: null, of: this.props.of };

  static getDerivedStateFromError(error: Error): Partial<ReadoutGuardState> {
    return { error };
  }

  static getDerivedStateFromProps(
    { of }: ReadoutGuardProps,
    state: ReadoutGuardState,
  ): Partial<ReadoutGuardState> | null {
    return of === state.of ? null : { of, error: null };
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (error === null) return this.props.children;
    return (
      <Notice
        kind="error"
        title="This readout could not be drawn"
        text={`The other readouts are not touched. Tell your administrator: ${error.message}`}
        action={{ label: 'Try again', onPress: () => this.setState({ error: null }) }}
      />
    );
  }
}
