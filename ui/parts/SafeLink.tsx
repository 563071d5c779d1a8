'use client';
import Link from 'next/link';
import type { LinkProps } from 'next/link';
import { useRouter } from 'next/navigation';
import type { AnchorHTMLAttributes, MouseEvent } from 'react';
import { api } from './api';
import { tellFault } from './messages';

type Props = LinkProps & Omit<AnchorHTMLAttributes<HTMLAnchorElement>, keyof LinkProps>;

const AWAY =
  'The server isn’t responding, so we stayed on this page. Unsaved changes are kept here; try the link again later.';

/** A link that is followed only while the server is there: one that is not would take the page away for nothing. */
export function SafeLink({ href, onClick, ...rest }: Props) {
  const router = useRouter();
  const follow = (event: MouseEvent<HTMLAnchorElement>): void => {
    onClick?.(event);
    const elsewhere = event.metaKey || event.ctrlKey || event.shiftKey || event.altKey || event.button !== 0;
    if (event.defaultPrevented || elsewhere) return;
    event.preventDefault();
    api
      .health()
      .then(() => router.push(String(href)))
      .catch(() => tellFault(AWAY));
  };
  // Nothing is fetched before: a long list would ask for every page that scrolls by, and each is there at once anyway.
  return <Link href={href} prefetch={false} onClick={follow} {...rest} />;
}
