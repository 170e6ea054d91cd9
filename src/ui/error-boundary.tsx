'use client';
/** Shows a text in place of a part of the page that failed; the rest of the page goes on. */
import { Component, type ReactNode } from 'react';

interface Props {
  /** What is shown in place of the part that failed. */
  fallback: (retry: () => void) => ReactNode;
  children: ReactNode;
}

export class ErrorBoundary extends Component<Props, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    return this.state.failed ? this.props.fallback(() => this.setState({ failed: false })) : this.props.children;
  }
}
