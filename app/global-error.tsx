'use client';

/** In the place of the whole page where even the frame around all pages failed: without styles, so that nothing can fail. */
export default function GlobalError({ reset }: { readonly reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main>
          <h1>Fenvo failed</h1>
          <p>Saved work is safe, and unsaved changes are kept in this browser.</p>
          <p>
            {/* A whole load: what failed may be what would follow a link. */}
            {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
            <a href="/" onClick={() => reset()}>
              Back to patches
            </a>
          </p>
        </main>
      </body>
    </html>
  );
}
