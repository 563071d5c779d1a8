import { PatchesScreen } from '@/ui/patches/PatchesScreen';

export default function Page() {
  return <PatchesScreen />;
}
