import { useEffect } from 'react';

/** Number keys choose one of several, where no field has the focus. */
export function useDigits(count: number, onChoose: (index: number) => void): void {
  useEffect(() => {
    const press = (e: KeyboardEvent): void => {
      const writes = e.target instanceof HTMLElement && e.target.matches('input, textarea');
      const index = Number(e.key) - 1;
      if (writes || e.ctrlKey || e.metaKey || e.altKey || !/^[1-9]$/.test(e.key) || index >= count) return;
      e.preventDefault();
      onChoose(index);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
