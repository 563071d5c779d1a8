import { createStore } from 'zustand';

/** The moment of the window that is pointed at, in the strip or in the scope, seconds; both show it. */
export const moment = createStore<{ readonly at: number | null }>(() => ({ at: null }));

export const pointAt = (at: number | null): void => {
  if (moment.getState().at !== at) moment.setState({ at });
};
