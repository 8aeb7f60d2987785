'use client'
import { useForm } from 'react-hook-form'
import { isFound, partDamages, partPlaces, placeOfNet } from '@/core/parts/found'
import type { PartDamage, PartPlace } from '@/core/parts/found'
import type { Bodies } from '@/core/slices'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { ChoiceField } from '@/ui/ChoiceField'
import { SelectField, TextField } from '@/ui/Field'

type Did = Bodies['part']['did']
const dids: readonly Did[] = ['found missing', 'found damaged', 'measured', 'taken off', 'fitted']
const whichPart = 'Which part? Its name on the board, or where it is: R214, or “left of the chip”.'

interface PartForm {
  ref: string
  did: Did
  how: PartDamage
  side: 'top' | 'bottom'
  place: PartPlace | ''
  net: string
  value: string
  text: string
}
const empty: PartForm = {
  ref: '',
  did: 'found missing',
  how: 'cracked',
  side: 'top',
  place: '',
  net: '',
  value: '',
  text: '',
}

/** A part as it was found, and where: that is evidence at once. */
export function NotePart() {
  const append = useJob((j) => j.append)
  const { register, control, handleSubmit, reset, watch, formState } = useForm<PartForm>({
    defaultValues: empty,
  })
  const [did, net] = watch(['did', 'net'])
  const found = isFound({ did })
  const byNet = net.trim() === '' ? null : placeOfNet(net)
  const keep = handleSubmit(({ ref, did, how, side, place, net, value, text }) => {
    const given = (name: 'net' | 'value' | 'text', written: string) =>
      written.trim() ? { [name]: written.trim() } : {}
    append('part', {
      ref: ref.trim(),
      did,
      side,
      ...(did === 'found damaged' ? { how } : {}),
      ...(place !== '' && found ? { place } : {}),
      ...given('net', net),
      ...given('value', value),
      ...given('text', text),
    })
    reset({ ...empty, did, side })
  })
  return (
    <form className="flex flex-col gap-2.5 pb-4" onSubmit={keep}>
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="Part"
          {...register('ref', { validate: (ref) => ref.trim() !== '' || whichPart })}
          error={formState.errors.ref?.message}
          placeholder="R214"
          className="num"
        />
        <TextField label="Net, if it is known" {...register('net')} placeholder="SPI_MISO" className="num" />
      </div>
      <ChoiceField label="It was" control={control} name="did" options={dids} />
      {did === 'found damaged' && (
        <ChoiceField label="How" control={control} name="how" options={partDamages} />
      )}
      {found && (
        <SelectField label="Where" {...register('place')}>
          <option value="">{byNet ? `${byNet}, by its net` : 'not said'}</option>
          {partPlaces.map((place) => (
            <option key={place}>{place}</option>
          ))}
        </SelectField>
      )}
      <ChoiceField label="Side" control={control} name="side" options={['top', 'bottom']} />
      <div className="grid grid-cols-[7rem_1fr] gap-3">
        <TextField label="Value" {...register('value')} placeholder="33 Ω" className="num" />
        <TextField label="How it is known" {...register('text')} placeholder="twin beside it measures 33 Ω" />
      </div>
      <Button type="submit" look="first" className="self-start">
        Note the part
      </Button>
    </form>
  )
}
