'use client';
/** An image that is asked for when it comes into view, and not before: browsers load lazy ones a screen ahead. */
import { useEffect, useRef, useState } from 'react';

export function SeenImage({ src }: { src: string }) {
  const [seen, setSeen] = useState(false);
  const image = useRef<HTMLImageElement>(null);
  useEffect(() => {
    const watch = new IntersectionObserver(([entry]) => entry!.isIntersecting && setSeen(true));
    watch.observe(image.current!);
    return () => watch.disconnect();
  }, []);
  return <img ref={image} src={seen ? src : undefined} alt="" />;
}
