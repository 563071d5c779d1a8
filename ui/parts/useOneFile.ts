import { useDropzone } from 'react-dropzone';
import { tellFault } from './messages';

/** One file, dropped on the root or chosen by a button that calls `open`. */
export function useOneFile(onFile: (file: File) => void) {
  return useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDropAccepted: ([file]) => file && onFile(file),
    onDropRejected: () => tellFault('One file at a time, please. Nothing was imported.'),
  });
}
