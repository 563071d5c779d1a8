import { useDropzone } from 'react-dropzone';

/** One file, dropped on the root or chosen by a button that calls `open`. */
export function useOneFile(onFile: (file: File) => void) {
  return useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDrop: ([file]) => file && onFile(file),
  });
}
