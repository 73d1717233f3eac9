import type { ReactNode } from 'react';

export default function OutsideLayout({ children }: { children: ReactNode }) {
  return (
    <main className="grid min-h-dvh grid-cols-1 lg:grid-cols-[1fr_28rem]">
      <div className="relative hidden overflow-hidden bg-[#1b2330] text-[#faf7f0] lg:block" aria-hidden>
        <Quay />
      </div>
      <div className="flex flex-col justify-center px-10 py-12">{children}</div>
    </main>
  );
}

/** A quay at dusk: water, a pier, and lamps along it, one lit for each letter of the name. */
function Quay() {
  const lamps = Array.from('Lanternpost');
  return (
    <svg viewBox="0 0 800 800" preserveAspectRatio="xMidYMax slice" className="absolute inset-0 h-full w-full">
      <rect y="520" width="800" height="280" fill="#141b26" />
      <path d="M0 520h800" stroke="#34406b" strokeWidth="3" />
      {lamps.map((letter, i) => (
        <g key={i} transform={`translate(${70 + i * 66} ${430 - (i % 3) * 6})`}>
          <path d="M0 0v92M-9 -34h18l3 32h-24z" fill="none" stroke="#faf7f0" strokeWidth="3" />
          <circle cy="-20" r="26" fill="#e3a008" opacity=".16" />
          <path d="M0-30c6 7 6 10 6 14a6 6 0 0 1-12 0c0-4 0-7 6-14z" fill="#e3a008" />
          <path
            d={`M0 ${100}v${90 + ((i * 37) % 60)}`}
            stroke="#e3a008"
            strokeWidth="3"
            strokeDasharray="4 14"
            opacity=".45"
          />
          <text
            y="-52"
            textAnchor="middle"
            fill="#faf7f0"
            fontFamily="Bricolage Grotesque Variable"
            fontSize="40"
            fontWeight="700"
          >
            {letter}
          </text>
        </g>
      ))}
    </svg>
  );
}
