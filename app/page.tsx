import { ShelfScreen } from '@/ui/patches/ShelfScreen';

export default function Page() {
  return <ShelfScreen />;
}
