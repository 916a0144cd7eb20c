import Link from "next/link";

export default function NotFound() {
  return (
    <main style={{ padding: "80px 40px", maxWidth: 520, margin: "0 auto" }}>
      <h1 style={{ font: "500 26px Spectral, serif", marginBottom: 10 }}>There is nothing at this address</h1>
      <p>The print may have been deleted, or the address is not complete. Your other prints are where they were.</p>
      <p style={{ marginTop: 14 }}>
        <Link href="/">To the contact sheet</Link>
      </p>
    </main>
  );
}
