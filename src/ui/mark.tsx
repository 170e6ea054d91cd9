/** The registration mark with the program's name; leads to the desk. */
export function Mark({ client }: { client: string }) {
  return (
    <div className="mark">
      <a href="/" aria-label="Sphaera: all projects">
        <Registration size={20} />
        Sphaera
      </a>
      {client ? <small>{client}</small> : null}
    </div>
  );
}

export function Registration({ size }: { size: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.3"
      aria-hidden="true"
    >
      <circle cx="10" cy="10" r="5.6" />
      <path d="M10 .5v19M.5 10h19" />
    </svg>
  );
}
