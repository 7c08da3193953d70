import { useEffect, useRef, useState } from 'react';

const holdsFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false;

/**
 * Files dropped anywhere in the window, unless something there takes them for itself. True while files are held over it.
 */
export function useFileDrop(onFiles: (files: FileList) => void): boolean {
  const [held, setHeld] = useState(false);
  const latest = useRef(onFiles);
  useEffect(() => {
    latest.current = onFiles;
  });
  useEffect(() => {
    const over = (event: DragEvent): void => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      event.dataTransfer!.dropEffect = 'copy';
      setHeld(true);
    };
    // Out of the window there is nothing one goes on to.
    const leave = (event: DragEvent): void => {
      if (event.relatedTarget === null) setHeld(false);
    };
    const drop = (event: DragEvent): void => {
      setHeld(false);
      if (event.defaultPrevented || !event.dataTransfer?.files.length) return;
      event.preventDefault();
      latest.current(event.dataTransfer.files);
    };
    addEventListener('dragover', over);
    addEventListener('dragleave', leave);
    addEventListener('drop', drop);
    return () => {
      removeEventListener('dragover', over);
      removeEventListener('dragleave', leave);
      removeEventListener('drop', drop);
    };
  }, []);
  return held;
}
