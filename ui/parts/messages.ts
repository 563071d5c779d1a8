import { createStore } from 'zustand';

export interface Message {
  readonly text: string;
  readonly bad: boolean;
  readonly action: { readonly label: string; readonly run: () => void } | null;
}

/** What the bar at the foot of the page says; the newest alone. */
export const messages = createStore<{ readonly message: Message | null }>(() => ({ message: null }));

export function tell(text: string, action: Message['action'] = null): void {
  messages.setState({ message: { text, bad: false, action } });
}

const told = new Set<string>();

/** Says something once while the page is open. */
export function tellOnce(text: string): void {
  if (told.has(text)) return;
  told.add(text);
  tellFault(text);
}

export function tellFault(fault: unknown): void {
  messages.setState({
    message: { text: fault instanceof Error ? fault.message : String(fault), bad: true, action: null },
  });
}
