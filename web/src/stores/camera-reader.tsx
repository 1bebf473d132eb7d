import { BrowserQRCodeReader, type IScannerControls } from '@zxing/browser';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';

/** Why the camera cannot be used, in words for whoever stands at the shelf. */
function troubleOf(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError') return 'This browser may not use the camera: allow it beside the address';
  if (name === 'NotFoundError') return 'This device has no camera';
  return 'The camera cannot be used: another program may have it';
}

/** Looks through the device's camera for the code on a label. Nothing of what it sees leaves the device. */
export function CameraReader({ onRead, onClose }: { onRead: (text: string) => void; onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const read = useRef(onRead);
  useEffect(() => {
    read.current = onRead;
  });
  const [trouble, setTrouble] = useState<string | null>(
    // Browsers give the camera to pages that came over https, or from this machine.
    'mediaDevices' in navigator
      ? null
      : 'The camera is given to pages over https alone: whoever looks after the server sets that up',
  );
  useEffect(() => {
    if (!('mediaDevices' in navigator)) return;
    let left = false;
    let controls: IScannerControls | null = null;
    const reader = new BrowserQRCodeReader();
    reader
      .decodeFromConstraints(
        { video: { facingMode: 'environment' } },
        video.current!,
        (found, _error, own) => {
          if (left || !found) return;
          left = true;
          own.stop();
          read.current(found.getText());
        },
      )
      .then(
        (own) => {
          controls = own;
          if (left) own.stop();
        },
        (error: unknown) => {
          if (!left) setTrouble(troubleOf(error));
        },
      );
    return () => {
      left = true;
      controls?.stop();
    };
  }, []);
  return (
    <section
      aria-label="Camera"
      className="flex flex-col gap-3 rounded-lg border border-lamp-edge bg-lamp p-4"
    >
      {trouble ? (
        <Note tone="trouble">{trouble}</Note>
      ) : (
        <p className="text-16">Hold the code of a label before the camera.</p>
      )}
      <video
        ref={video}
        muted
        playsInline
        aria-label="What the camera sees"
        className={`max-h-80 w-full rounded-md bg-ink object-contain ${trouble ? 'hidden' : ''}`}
      />
      <div>
        <Button onClick={onClose}>Close the camera</Button>
      </div>
    </section>
  );
}
