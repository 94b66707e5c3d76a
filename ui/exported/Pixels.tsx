'use client';
/** Pixels as a picture, with what it shows below. */
import { useEffect, useRef } from 'react';

interface Props {
  words: string;
  /** RGBA of 8 bits */ pixels: ArrayBuffer;
  width: number;
  height: number;
}

export function Pixels({ words, pixels, width, height }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    context?.putImageData(new ImageData(new Uint8ClampedArray(pixels), width, height), 0, 0);
  }, [pixels, width, height]);
  return (
    <figure>
      <canvas
        ref={canvas}
        width={width}
        height={height}
        role="img"
        aria-label={words}
        className="block h-auto w-full"
      />
      <figcaption className="mt-1 text-[12px] text-soft">{words}</figcaption>
    </figure>
  );
}
