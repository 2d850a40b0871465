/** The parts of a long page, to jump to: a row of links for thumbs, and a way past many stops for the keyboard. */
export function JumpLinks({ label, parts }: { label: string; parts: { to: string; label: string }[] }) {
  return (
    <nav aria-label={label} className="no-print flex flex-wrap gap-x-4">
      {parts.map((part) => (
        <a key={part.to} href={`#${part.to}`} className="inline-flex min-h-11 items-center font-semibold">
          {part.label}
        </a>
      ))}
    </nav>
  );
}
