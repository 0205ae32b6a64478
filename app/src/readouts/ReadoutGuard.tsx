import { Component, type ReactNode } from 'react';
import { Message } from '../components/Message';

interface ReadoutGuardProps {
  /** Changing key: another readout makes the boundary try again. */
  readonly of: unknown;
  readonly children: ReactNode;
}

interface ReadoutGuardState {
  readonly error: Error | null;
  readonly of: unknown;
}

/** Error boundary of one readout, so that it does not take the whole board down. */
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
      <Message
        kind="error"
        title="This readout could not be drawn"
        text={`The other readouts still work. Tell your administrator: ${error.message}`}
        action={{ label: 'Try again', onPress: () => this.setState({ error: null }) }}
      />
    );
  }
}
