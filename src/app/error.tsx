"use client";

export default function ErrorPage({ reset }: { reset(): void }) {
  return (
    <main style={{ padding: "80px 40px", maxWidth: 520, margin: "0 auto" }}>
      <h1 style={{ font: "500 26px Spectral, serif", marginBottom: 10 }}>This page could not be shown</h1>
      <p>The server did not answer as it should; it may be starting. What you saved is safe.</p>
      <p style={{ marginTop: 14 }}>
        <button type="button" onClick={reset}>
          Try again
        </button>
      </p>
    </main>
  );
}
