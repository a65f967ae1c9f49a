import { SIGN_PATHS, type SignCode } from "@hearth/core";

/** A hazard pictogram: a red diamond with its sign, drawn as the regulation describes it. */
export function HazardSign({ code, size = 72 }: { code: string; size?: number }) {
  const sign = SIGN_PATHS[code as SignCode];
  if (!sign) return null;
  return (
    <svg viewBox="0 0 100 100" width={size} height={size} role="img" aria-label={`${code}: ${sign.name}`}>
      <path d="M50 3 97 50 50 97 3 50Z" fill="#fff" stroke="#d00000" strokeWidth={6} strokeLinejoin="miter" />
      {sign.paths.map((signPath) => (
        <path
          key={signPath.d}
          d={signPath.d}
          fill={signPath.fill ?? "none"}
          stroke={signPath.stroke ? "#000" : "none"}
          strokeWidth={signPath.stroke ?? 0}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
