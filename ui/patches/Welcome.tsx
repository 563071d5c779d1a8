'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { RackSelect } from '@/ui/parts/RackSelect';
import { setSetting } from '@/ui/parts/settings';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { SafeLink } from '@/ui/parts/SafeLink';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly brief: boolean;
  readonly onGoal: () => void;
  readonly onRecipes: () => void;
  readonly onNew: () => void;
  /** Null while the patches are being read. */
  readonly onTour: (() => void) | null;
}

interface DoorProps {
  readonly name: string;
  readonly says: string;
  readonly first?: boolean;
  readonly onOpen: () => void;
}

const doorsStyle = {
  display: 'grid',
  gap: 2,
  gridTemplateColumns: { xs: '1fr', sm: 'repeat(3, 1fr)' },
} as const;

/** What Fenvo is, the three doors to a patch, the tour, and the rack that is used. */
export function Welcome(props: Props) {
  const { brief, onGoal, onRecipes, onNew, onTour } = props;
  if (brief)
    return (
      <Box component="section" aria-label="New patch" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, pt: 2 }}>
        <Button color="primary" onClick={onGoal}>
          From a target
        </Button>
        <Button onClick={onRecipes}>From a recipe</Button>
        <Button onClick={onNew}>Empty patch</Button>
        <Box sx={{ flex: 1 }} />
        <RackLine />
        <Button disabled={!onTour} onClick={() => onTour?.()}>
          Tour
        </Button>
      </Box>
    );
  return (
    <Box component="section" aria-label="Welcome" sx={{ pt: { xs: 2, md: 3.5 } }}>
      <Box component="h1" sx={{ fontSize: { xs: 23, md: 28 }, lineHeight: 1.2, m: 0 }}>
        Know what arrives before you plug a cable.
      </Box>
      <Box sx={{ fontSize: 16, color: ink.softInk, mt: 1, mb: 2.5, maxWidth: 760 }}>
        Fenvo works out the voltages in a modulation patch, finds the knob settings for the range you want, checks them
        against your rack and prints the patch sheet.
      </Box>
      <Box sx={doorsStyle}>
        <Door
          first
          name="From a target"
          says="“Filter cutoff from 200 Hz to 3 kHz, by an LFO.” Fenvo proposes the stages and sets the knobs."
          onOpen={onGoal}
        />
        <Door
          name="From a recipe"
          says="Tremolo, ducking, glide, macro fader … ready to play, each with a note on what to turn."
          onOpen={onRecipes}
        />
        <Door name="Empty patch" says="Start from the destination you want to move." onOpen={onNew} />
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2, rowGap: 1, mt: 2 }}>
        <Box component="span" sx={{ color: ink.softInk }}>
          First time here?
        </Box>
        <Button color="primary" disabled={!onTour} onClick={() => onTour?.()}>
          Take the tour (3 min)
        </Button>
        <Leads />
        <RackLine />
        <Box sx={{ flex: 1 }} />
        <Button variant="text" onClick={() => setSetting('welcome', false)} sx={{ color: ink.softInk }}>
          Hide this introduction
        </Button>
      </Box>
    </Box>
  );
}

/** The ways to learn the craft, before there is a patch of one’s own. */
const Leads = () => (
  <Box component="span" sx={{ display: 'inline-flex', gap: 2 }}>
    <Box component={SafeLink} href="/practice/walkthroughs" sx={{ color: ink.wanted }}>
      Walkthroughs
    </Box>
    <Box component={SafeLink} href="/practice" sx={{ color: ink.wanted }}>
      Practice
    </Box>
  </Box>
);

function Door({ name, says, first = false, onOpen }: DoorProps) {
  return (
    <ButtonBase
      onClick={onOpen}
      data-door={name}
      sx={{
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'flex-start',
        justifyContent: 'flex-start',
        p: 2,
        textAlign: 'left',
        font: 'inherit',
        borderRadius: 1,
        border: `1px solid ${first ? ink.wanted : ink.line}`,
        background: ink.raised,
        '&:hover': { borderColor: ink.wanted },
      }}
    >
      <Box
        component="span"
        sx={{ display: 'block', fontSize: 16, fontWeight: 700, color: first ? ink.wanted : ink.ink }}
      >
        {name}
      </Box>
      <Box component="span" sx={{ display: 'block', mt: 0.5, color: ink.softInk }}>
        {says}
      </Box>
    </ButtonBase>
  );
}

/** The rack that patches are checked and planned with. */
function RackLine() {
  const { racks } = useChosenRack();
  return (
    <Box component="span" sx={{ display: 'inline-flex', alignItems: 'center', gap: 1, color: ink.softInk }}>
      {racks.length > 0 ? (
        <>
          Rack in use:
          <RackSelect />
        </>
      ) : (
        <Box component={SafeLink} href="/racks" sx={{ color: ink.wanted }}>
          Add your rack
        </Box>
      )}
    </Box>
  );
}
