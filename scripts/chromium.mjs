import { existsSync } from 'node:fs';

/** Debian's Chromium; where both its forms are there, the one without a window, which is the lighter. */
const FORMS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** The Chromium of the browser tests: the one that is named, else one that is there. */
export const findChromium = () => process.env.FENVO_CHROMIUM ?? FORMS.find((file) => existsSync(file));
