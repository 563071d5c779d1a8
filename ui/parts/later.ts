'use client';
import type { ComponentType } from 'react';
import dynamic from 'next/dynamic';
import { patiently } from './patiently';

/** A part of the page that is read when it is first shown, by the browser alone; waited for while no server answers. */
export const later = <P>(read: () => Promise<ComponentType<P>>): ComponentType<P> =>
  dynamic(patiently(read), { ssr: false });
