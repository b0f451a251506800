import { create } from 'qrcode';

/** A QR code as one path; error correction M keeps it readable on a scratched bag. Source: ISO/IEC 18004, by the library. */
export function QrCode({ text, size: px = 64 }: { readonly text: string; readonly size?: number }) {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  const { size, data } = modules;
  const path = Array.from(data, (on, i) => (on ? `M${i % size} ${Math.floor(i / size)}h1v1h-1z` : '')).join('');
  return (
    <svg
      viewBox={`-1 -1 ${size + 2} ${size + 2}`}
      width={px}
      height={px}
      role="img"
      aria-label={`Code of ${text}`}
      shapeRendering="crispEdges"
    >
      <path d={path} fill="currentColor" />
    </svg>
  );
}
