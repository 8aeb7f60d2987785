'use client'
import { useState } from 'react'
import { inHand, roleWords } from '@/core/firmware/slice'
import type { ImageRole } from '@/core/firmware/bodies'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { DropArea } from '@/ui/DropArea'
import { FileButton } from '@/ui/FileButton'
import { saveFile } from '@/ui/save-file'
import { When } from '@/ui/When'
import { saveAs } from '@/workers/save-as'
import type { SaveAs } from '@/workers/save-as'
import type { Images } from './use-images'

/** Files an image comes in. */
export const IMAGE_FILES = '.bin,.rom,.cap,.fd,.hex,.ihx,.mot,.srec,.s19,.s28,.s37,application/octet-stream'

/** Images of the job, the newest first; one opens at a press, is saved in an open format, and more come in. */
export function ImageList({
  images,
  chosen,
  onChoose,
}: {
  images: Images
  chosen: number | null
  onChoose: (seq: number) => void
}) {
  const firmware = useJob((j) => j.state.firmware)
  const [role, setRole] = useState<ImageRole>('release')
  const [as, setAs] = useState<SaveAs>('BIN')
  const { reads, release, older } = inHand(firmware)
  const used = new Set([...reads, release, older].map((i) => i?.seq))
  const open = (files: Iterable<File>) => {
    const [file] = files
    if (file) void images.open(file, role)
  }
  const save = async (sha: string, name: string) =>
    saveFile(
      await images.remote().save(images.urlOf(sha), as),
      `${name.replace(/\.\w+$/, '')}.${{ BIN: 'bin', 'hex records': 'hex', 'S-records': 'srec' }[as]}`,
    )
  return (
    <DropArea label="Images" className="pt-1 pb-3" onFiles={open}>
      <h2 id="images">Images</h2>
      {firmware.images.length === 0 && <p className="text-soft">None yet.</p>}
      <ul>
        {[...firmware.images].reverse().map((image) => (
          <li key={image.seq} className="border-b border-dashed border-line py-1 leading-snug">
            <button
              type="button"
              aria-pressed={image.seq === chosen}
              onClick={() => onChoose(image.seq)}
              className="w-full text-left aria-pressed:font-semibold"
            >
              {roleWords[image.role]}{' '}
              {image.versions[0] && <span className="num">{image.versions.join(', ')}</span>}
              {!used.has(image.seq) && <span className="text-soft"> (older)</span>}
            </button>
            <span className="flex items-baseline justify-between gap-2 text-[0.85rem] text-soft">
              <span className="min-w-0 truncate" title={`${image.name}, SHA-256 ${image.file}`}>
                <When at={image.at} as="time" /> {image.name},{' '}
                <span className="num">{image.file.slice(0, 8)}</span>
              </span>
              <Button
                look="bare"
                className="py-0! text-[0.85rem]"
                onClick={() => void save(image.file, image.name)}
              >
                Save
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {firmware.images.length > 0 && <Choice label="Save as" value={as} options={saveAs} onChange={setAs} />}
      <div className="mt-2 border-t border-line pt-2">
        <Choice
          label="Open as"
          value={role}
          options={['read', 'release', 'older release']}
          words={{ 'older release': 'release before' }}
          onChange={setRole}
        />
        <FileButton label="Image to open" accept={IMAGE_FILES} onFile={(file) => open([file])}>
          Open…
        </FileButton>
      </div>
    </DropArea>
  )
}
