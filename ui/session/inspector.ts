import { createStore } from 'zustand';

export type Tab = 'stage' | 'destination' | 'patch';

/** A route that is asked for: from an output to a destination. */
export interface RouteAsked {
  readonly from: string;
  readonly to: string;
}

interface Inspector {
  readonly tab: Tab;
  /** The list of issues lies over the tabs' panel. */
  readonly issues: boolean;
  /** The map stands in the place of the path. */
  readonly map: boolean;
  /** Asked for on the map; null: along the path shown. */
  readonly route: RouteAsked | null;
}

/** What the inspector at the right shows. */
export const inspector = createStore<Inspector>(() => ({ tab: 'destination', issues: false, map: false, route: null }));

export const openTab = (tab: Tab): void => inspector.setState({ tab, issues: false });

export const openIssues = (issues = true): void => inspector.setState({ issues });

export const showMap = (map: boolean): void => inspector.setState({ map });

export const askRoute = (route: RouteAsked | null): void =>
  inspector.setState(route ? { route, tab: 'destination', issues: false } : { route });
