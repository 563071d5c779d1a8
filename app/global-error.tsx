'use client';

/** In the place of the whole page where even the frame around all pages failed: without styles, so that nothing can fail. */
export default function GlobalError({ reset }: { readonly reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main>
          <h1>Fenvo failed</h1>
          <p>What was saved is kept, and so is this browser’s draft of what was not.</p>
          <p>
            {/* A whole load: what failed may be what would follow a link. */}
            {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
            <a href="/" onClick={() => reset()}>
              To the shelf
            </a>
          </p>
        </main>
      </body>
    </html>
  );
}
