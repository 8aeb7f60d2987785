'use client'
import type { ComponentProps } from 'react'
import { useController } from 'react-hook-form'
import type { Control, FieldPathByValue, FieldValues } from 'react-hook-form'
import { Choice } from './Choice'

type Props<F extends FieldValues, T extends string> = Omit<
  ComponentProps<typeof Choice<T>>,
  'value' | 'onChange'
> & {
  readonly control: Control<F>
  readonly name: FieldPathByValue<F, T>
}

/** A choice that is a field of a form. */
export function ChoiceField<F extends FieldValues, T extends string>({
  control,
  name,
  ...rest
}: Props<F, T>) {
  const { field } = useController({ control, name })
  return <Choice<T> {...rest} value={field.value as T} onChange={field.onChange} />
}
