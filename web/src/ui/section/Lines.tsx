/** A pipe: its wall, and the water in it. */
export function Pipe({ path, width, colour }: { path: string; width: number; colour: string }) {
  return (
    <>
      <path d={path} fill="none" stroke={colour} strokeWidth={width} strokeLinejoin="round" />
      <path
        d={path}
        fill="none"
        stroke="var(--color-water)"
        strokeWidth={width * 0.5}
        strokeLinejoin="round"
      />
    </>
  );
}

interface LevelProps {
  y: number;
  from: number;
  to: number;
  scale: number;
  colour?: string;
  dotted?: boolean;
}

/** A level that the water comes to when something fails: dashed with the power off, dotted when something clogs too. */
export function Level({ y, from, to, scale, colour = "var(--color-brass)", dotted = false }: LevelProps) {
  return (
    <path
      d={`M${from} ${y}H${to}`}
      stroke={colour}
      strokeWidth={scale * 0.0018}
      strokeDasharray={dotted ? `${scale * 0.0018} ${scale * 0.005}` : `${scale * 0.008} ${scale * 0.005}`}
    />
  );
}
