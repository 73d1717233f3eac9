'use client';

import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import { REFUSED } from '@/core/roles';
import { useMay } from '@/interface/data/may';
import { useFromNetwork, useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/words/format';
import { isTyping } from '@/interface/shell/typing';
import { filesOf } from './dropped';
import { isOpen } from './sender';
import { senderOf, useSending } from './use-sending';

const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;

/** What is pasted has no name of its own: when it came is one. */
const pasted = (file: File): File =>
  /^image\.\w+$/.test(file.name)
    ? new File(
        [file],
        `Pasted ${new Date().toISOString().slice(0, 19).replace('T', ' ').replaceAll(':', '.')}.png`,
        file,
      )
    : file;

/** Files dropped or pasted anywhere go into the library; a page that is left while it sends asks first. */
export function CatchFiles() {
  const person = useFromNetwork((network) => network.view.me);
  const { notify } = useNetwork('notify');
  const router = useRouter();
  const maySend = useMay('library');
  const sender = senderOf(person);
  const open = useSending(sender, ({ files }) => files.some((one) => isOpen(one) && one.standing !== 'paused'));
  const [over, setOver] = useState(false);

  useEffect(() => {
    const add = (files: Promise<File[]>) =>
      void files.then(
        (list) => {
          if (!maySend) return notify(REFUSED.library, true);
          if (list.length === 0) return notify('There was no file in what you dropped.');
          sender.add(list);
          router.push('/library');
        },
        () => notify('Some of these files can’t be read. Choose them again. Nothing was sent.'),
      );
    const onOver = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const onLeave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const onDrop = (event: DragEvent) => {
      setOver(false);
      if (!hasFiles(event) || !event.dataTransfer) return;
      event.preventDefault();
      add(filesOf(event.dataTransfer));
    };
    const onPaste = (event: ClipboardEvent) => {
      if (isTyping(event.target) || !event.clipboardData?.files.length) return;
      event.preventDefault();
      add(filesOf(event.clipboardData).then((files) => files.map(pasted)));
    };
    const wake = () => sender.wake();
    document.addEventListener('dragover', onOver);
    document.addEventListener('dragleave', onLeave);
    document.addEventListener('drop', onDrop);
    document.addEventListener('paste', onPaste);
    addEventListener('online', wake);
    return () => {
      document.removeEventListener('dragover', onOver);
      document.removeEventListener('dragleave', onLeave);
      document.removeEventListener('drop', onDrop);
      document.removeEventListener('paste', onPaste);
      removeEventListener('online', wake);
    };
  }, [sender, maySend, notify, router]);

  useEffect(() => {
    if (!open) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [open]);

  if (!over) return null;
  return (
    <div className="pointer-events-none fixed inset-2 z-50 flex items-end justify-center border-2 border-dashed border-dusk pb-16">
      <p className="cut-small bg-dusk px-6 py-2 font-semibold text-on-dusk">
        Drop the files to add them to the library
      </p>
    </div>
  );
}

/** In every place: how far the files are that this page sends. */
export function SendingLine() {
  const person = useFromNetwork((network) => network.view.me);
  const sender = senderOf(person);
  const open = useSending(sender, ({ files }) => files.filter(isOpen).length);
  const share = useSending(sender, ({ files }) => {
    const bytes = files.reduce((sum, one) => sum + one.bytes, 0);
    return bytes === 0 ? 0 : Math.floor((files.reduce((sum, one) => sum + one.sent, 0) / bytes) * 100);
  });
  if (open === 0) return null;
  return (
    <span className="whitespace-nowrap text-sm text-faint">
      {counted(open, 'file')} on the way, {share} %
    </span>
  );
}
