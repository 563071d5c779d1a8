import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import { scaleLinear } from 'd3-scale';
import { showRange } from '@/core';
import { domainOf } from '@/ui/parts/domain';
import { fonts, headingStyle, ink } from '@/ui/theme/tokens';
import type { FirstPaint as Data } from '@/wire/patches';

const HEIGHT = 200;

const asideStyle = { width: 312, flexShrink: 0, borderLeft: `1px solid ${ink.line}`, background: ink.raised, p: 1.75 };
const mainStyle = { flex: 1, minWidth: 0, px: 2 } as const;

/** An open patch before it is there: its name, its readings, and the bands of its stages, all in their places. */
export function FirstPaint({ first }: { readonly first: Data | null }) {
  const end = first?.ends.find((e) => e.at === first.shown) ?? first?.ends[0];
  return (
    <Box data-first-paint aria-busy="true" sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh' }}>
      <Box
        component="header"
        sx={{ display: 'flex', gap: 1, alignItems: 'center', height: 48, px: 2, borderBottom: `1px solid ${ink.line}` }}
      >
        <Box sx={{ fontSize: 18, fontWeight: 700 }}>Fenvo</Box>
        <Box sx={{ color: ink.softInk }}>Patches /</Box>
        {first ? <Box sx={{ fontSize: 15, fontWeight: 700 }}>{first.name}</Box> : <Skeleton sx={{ width: 160 }} />}
      </Box>
      <Box sx={{ flex: 1, display: 'flex' }}>
        <Box
          sx={{ width: 236, flexShrink: 0, display: { xs: 'none', md: 'block' }, borderRight: `1px solid ${ink.line}` }}
        >
          <Box sx={{ ...headingStyle, px: 1.75, pt: 2, pb: 1 }}>Destinations</Box>
          {first?.ends.map((e) => (
            <Box key={e.at} sx={{ px: 1.9, py: 1 }}>
              <Box sx={{ fontWeight: 700 }}>{e.label}</Box>
              <Box sx={{ fontFamily: fonts.numbers }}>{showRange(e.low, e.high, e.unit)}</Box>
            </Box>
          )) ?? <Skeleton sx={{ mx: 1.75 }} />}
        </Box>
        <Box component="main" sx={mainStyle}>
          <Box sx={{ minHeight: 66, py: 0.75, borderBottom: `1px solid ${ink.line}`, mx: -2, px: 2 }}>
            {end ? (
              <>
                <Box sx={{ fontSize: 12, color: ink.softInk }}>{end.label}</Box>
                <Box sx={{ fontFamily: fonts.numbers, fontSize: 22, lineHeight: 1.25 }}>
                  {showRange(end.low, end.high, end.unit)}
                </Box>
              </>
            ) : (
              <Skeleton sx={{ width: 220, height: 44 }} />
            )}
          </Box>
          <Stages strip={first?.strip ?? []} />
          <Box role="status" sx={{ color: ink.softInk, mt: 2 }}>
            Opening the patch…
          </Box>
        </Box>
        <Box sx={{ ...asideStyle, display: { xs: 'none', md: 'block' } }}>
          <Skeleton sx={{ height: 32 }} />
          <Skeleton variant="rectangular" sx={{ height: 120, mt: 2 }} />
        </Box>
      </Box>
    </Box>
  );
}

function Stages({ strip }: Pick<Data, 'strip'>) {
  if (strip.length === 0) return <Skeleton variant="rectangular" sx={{ height: HEIGHT, mt: 4 }} />;
  const y = scaleLinear()
    .domain(domainOf(strip.map((f) => f.bound)))
    .range([HEIGHT, 0]);
  return (
    <Box sx={{ display: 'flex', gap: 3, mt: 8 }}>
      {strip.map((f, i) => (
        <Box key={i} sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ fontWeight: 700, whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>
            {f.label}
          </Box>
          <Box sx={{ position: 'relative', height: HEIGHT, mt: 1, border: `1px solid ${ink.line}` }}>
            {(['bound', 'seen'] as const).map((which) => (
              <Box
                key={which}
                sx={{
                  position: 'absolute',
                  left: 0,
                  right: 0,
                  top: y(f[which][1]),
                  height: Math.max(1, y(f[which][0]) - y(f[which][1])),
                  background: which === 'bound' ? ink.bound : ink.seen,
                }}
              />
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
