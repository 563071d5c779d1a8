import { firstPatches } from '@/server/firstPaint';
import { PatchesScreen } from '@/ui/patches/PatchesScreen';

export default async function Page() {
  // The list itself reports what cannot be read.
  return <PatchesScreen first={await firstPatches().catch(() => null)} />;
}
