import Joi from 'joi'
import { assess } from '@/core/socket/damage/assess'
import { benchBeam } from '@/core/socket/contact/contact-force'
import { clusters } from '@/core/socket/damage/cluster'
import { editField, sayEdit } from '@/core/socket/model/edit-field'
import type { EditedField, FieldEdit } from '@/core/socket/model/edit-field'
import { damageKinds } from '@/core/socket/damage/mark'
import type { Marks } from '@/core/socket/damage/mark'
import { afterPlan, plan } from '@/core/socket/straighten/plan'
import type { School } from '@/core/socket/straighten/plan'
import { trusts } from '@/core/socket/model/socket'
import { functionGroups } from '@/core/board/function-group'
import { contactCsv, readContactCsv } from '@/tables/contact-csv'
import { figureFault, figureNames, figuresOf, usualFigures } from '@/core/socket/straighten/bench-figures'
import type { FigureName } from '@/core/socket/straighten/bench-figures'
import { giveBack, weigh } from '@/core/socket/straighten/reckon'
import { worthOf } from '@/core/job/advise'
import type { SnapFactors } from '@/core/socket/straighten/technique'
import { bestFit } from '@/core/socket/seat/insertion'
import type { PinAndHole } from '@/core/socket/seat/insertion'
import { sayOrientation } from '@/core/socket/table/orientation'
import { pushAdvice } from '@/core/socket/straighten/push'
import type { PushQuestion } from '@/core/socket/straighten/push'
import { replacementWays } from '@/core/socket/replace/replacement'
import type { ReplacementQuestion } from '@/core/socket/replace/replacement'
import { learnedEyes, learnedTechniques, snapFactors } from '@/core/socket/straighten/snap-record'
import type { Eye, SnapTally } from '@/core/socket/straighten/snap-record'
import { techniques } from '@/core/socket/straighten/technique'
import { marks, name, oneField, socketOf } from './field-input'
import type { FieldInput } from './field-input'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'

interface PlanInput extends FieldInput {
  readonly marks: Marks
  readonly school: School
  readonly left: Readonly<Record<string, string>>
  readonly strokes: Readonly<Record<string, number>>
}

interface NextInput extends FieldInput {
  readonly marks: Marks
  readonly contact: string
  readonly first: Marks
  readonly strokes: Readonly<Record<string, number>>
  readonly factors: SnapFactors
  readonly worthMinor: number
}

const place = Joi.number().min(-100).max(100).required()
const point = Joi.array().items(place, place).length(2)

const chosen = { contacts: Joi.array().items(name).min(1).max(6500).required() }
const fieldEdit = Joi.alternatives(
  Joi.object({ edit: Joi.valid('gap', 'fill').required(), ...chosen }),
  Joi.object({ edit: Joi.valid('beams').required(), ...chosen, beamDeg: Joi.number().required() }),
  Joi.object({
    edit: Joi.valid('function').required(),
    ...chosen,
    group: Joi.valid(...functionGroups).required(),
    trust: Joi.valid(...trusts).default('region'),
  }),
  Joi.object({ edit: Joi.valid('move').required(), ...chosen, byMm: point.required() }),
  Joi.object({ edit: Joi.valid('rename').required(), contact: name.required(), as: name.required() }),
  Joi.object({ edit: Joi.valid('add').required(), contact: name.required(), atMm: point.required() }),
)

type OwnFigures = Readonly<Partial<Record<FigureName, number>>>
const ownFigures = Joi.object(
  Object.fromEntries(
    figureNames.map((figure) => [
      figure,
      Joi.number().custom((value: number, helpers) => {
        const fault = figureFault(figure, value)
        return fault === null ? value : helpers.message({ custom: `${figure} is ${fault}` })
      }),
    ]),
  ),
).default({})

/** What is computed of a socket’s contacts. */
export const socketOperations: Readonly<Record<string, Operation>> = {
  'socket.check': operation<{ table: string }>(
    'Reads a contact table (CSV by path) and says what is wrong with it.',
    Joi.object({ table: Joi.string().required() }),
    ({ table }) => {
      const read = readContactCsv(readFile(table, 'table').toString('utf8'))
      const { contacts, pitchMm, findings } = read
      const count = (group: string) => contacts.filter((c) => c.group === group).length
      const groups = Object.fromEntries(
        functionGroups.map((g) => [g, count(g)] as const).filter(([, n]) => n > 0),
      )
      const lies = sayOrientation(read.orientation) ?? 'as its names say'
      return {
        good: contacts.length > 0,
        contacts: contacts.length,
        pitchMm,
        unit: read.unit,
        lies,
        groups,
        findings,
      }
    },
  ),

  'socket.edit': operation<FieldInput & { edits: readonly FieldEdit[] }>(
    'Changes a field: gaps, beams, functions, places, names; gives its table back as CSV.',
    oneField({ edits: Joi.array().items(fieldEdit).min(1).max(2000).required() }),
    ({ edits, ...rest }) => {
      const socket = socketOf(rest)
      let field: EditedField = { contacts: socket.contacts, gaps: [] }
      edits.forEach((edit, i) => {
        const next = editField(field, edit)
        if (typeof next === 'string') throw new BadInput(`edits[${i}]`, next)
        field = next
      })
      const { contacts, gaps } = field
      return {
        contacts: contacts.length,
        gaps: gaps.map((g) => g.name),
        done: edits.map(sayEdit),
        csv: contactCsv({ contacts }),
      }
    },
  ),

  'socket.assess': operation<FieldInput & { marks: Marks; looked?: string[]; seed: number; draws: number }>(
    'Contact, shorts, lost functions and the odds that a board runs with these marks.',
    oneField({
      marks: marks.required(),
      looked: Joi.array().items(name),
      seed: Joi.number().integer().default(1),
      draws: Joi.number().integer().min(100).max(200_000).default(2000),
    }),
    ({ marks: seen, looked, seed, draws, ...rest }) =>
      assess(socketOf(rest, seen), seen, { seed, draws, ...(looked ? { looked: new Set(looked) } : {}) }),
  ),

  'socket.plan': operation<PlanInput>(
    'An order of straightening with technique, side, strokes and snap odds, and the outlook after it.',
    oneField({
      marks: marks.required(),
      school: Joi.valid('A', 'B').default('A'),
      left: Joi.object().pattern(name, Joi.string()).default({}),
      strokes: Joi.object().pattern(name, Joi.number().integer().min(0)).default({}),
    }),
    ({ marks: seen, school, left, strokes, ...rest }) => {
      const socket = socketOf(rest, seen)
      const planned = plan(socket, seen, school, left, strokes)
      const after = afterPlan(planned, seen)
      const then = assess(socket, after.marks, { mayBeGone: after.mayBeGone })
      const outlook = {
        runs: then.runs,
        runsLow: then.runsLow,
        runsHigh: then.runsHigh,
        nothingLost: then.whole,
      }
      return { ...planned, clusters: clusters(socket, seen).map((c) => c.say), after: outlook }
    },
  ),

  'socket.push': operation<PushQuestion>(
    'One more stroke, stop, or test now: gain against snap odds, looked ahead stroke by stroke.',
    Joi.object({
      kind: Joi.valid('land-grid', 'pin-grid').default('land-grid'),
      technique: Joi.valid(...techniques).required(),
      residualMm: Joi.number().min(0).max(3).required(),
      isHeight: Joi.boolean().default(false),
      lifeUsed: Joi.number().min(0).max(10).default(0),
      runsGood: Joi.number().min(0).max(1).required(),
      runsLost: Joi.number().min(0).max(Joi.ref('runsGood')).required(),
      worthMinor: Joi.number().min(0).required(),
      strokeMinor: Joi.number().min(0).default(0),
      lossMinor: Joi.number().min(0).default(0),
      snapFactor: Joi.number().greater(0).max(20).default(1),
    }),
    (question) => pushAdvice(question),
  ),

  'socket.next': operation<NextInput>(
    'One contact of a field: how it would be worked, and whether a stroke is worth it, stopping is, or leaving it as it is.',
    oneField({
      marks: marks.required(),
      contact: name.required(),
      first: marks.default({}),
      strokes: Joi.object().pattern(name, Joi.number().integer().min(0).max(100)).default({}),
      factors: Joi.object().pattern(Joi.string().max(40), Joi.number().greater(0).max(20)).default({}),
      worthMinor: Joi.number().min(0).default(usualFigures.boardMinor),
    }),
    (input) => {
      const { contact, factors, strokes, worthMinor } = input
      const socket = socketOf(input, input.marks)
      const mark = input.marks[contact]
      if (!mark) throw new BadInput('contact', `${contact} is not among the marks`)
      const step = plan(socket, input.marks, 'A', {}, strokes, factors).steps.find(
        (s) => s.contact === contact,
      )
      if (!step) throw new BadInput('contact', `${contact} is not damaged: there is nothing to weigh`)
      const { technique, tool, from, say, snaps, after, ifLost } = step
      const handled = { contact, technique, tool, from, say, snaps, after, ifLost }
      if (technique === 'leave' || technique === 'look' || technique === 'replace')
        return { ...handled, advice: technique, why: say }
      const first = input.first[contact] ?? mark
      const weighed = weigh(socket, {
        ...worthOf(worthMinor, usualFigures),
        marks: input.marks,
        contact,
        technique,
        first,
        strokes: strokes[contact] ?? 0,
        factors,
      })
      return { ...handled, ...weighed }
    },
  ),

  'socket.record': operation<{ tallies: readonly SnapTally[]; eye: Eye }>(
    'What a shop’s own strokes say of the odds of snapping, by technique, light and magnification.',
    Joi.object({
      tallies: Joi.array()
        .items(
          Joi.object({
            technique: Joi.string().max(60).required(),
            damage: Joi.valid(...damageKinds, null).default(null),
            light: Joi.string().allow('', null).max(120).default(null),
            magnification: Joi.string().allow('', null).max(40).default(null),
            tried: Joi.number().integer().min(0).required(),
            snapped: Joi.number().integer().min(0).max(Joi.ref('tried')).required(),
            predicted: Joi.number().min(0).max(Joi.ref('tried')).required(),
          }),
        )
        .min(1)
        .max(2000)
        .required(),
      eye: Joi.object({ light: Joi.string().max(120), magnification: Joi.string().max(40) }).default({}),
    }),
    ({ tallies, eye }) => ({
      techniques: learnedTechniques(tallies),
      eyes: learnedEyes(tallies),
      factors: snapFactors(tallies, eye),
    }),
  ),

  'socket.insert': operation<{ pins: readonly PinAndHole[]; clearanceMm: number }>(
    'Best-fit insertion of a pin-grid CPU: does it drop in, and which pins bind.',
    Joi.object({
      pins: Joi.array()
        .items(Joi.object({ name: name.required(), pin: point.required(), hole: point.required() }))
        .min(1)
        .max(6500)
        .unique('name')
        .required(),
      clearanceMm: Joi.number().greater(0).max(2).default(benchBeam.holeCatchMm),
    }),
    ({ pins, clearanceMm }) => bestFit(pins, clearanceMm),
  ),

  'socket.replace': operation<ReplacementQuestion & { figures: OwnFigures }>(
    'Contacts that are gone: leave, raise the stub, transplant, whole socket or exchange, compared.',
    Joi.object({
      stubs: Joi.number().integer().min(0).max(200).default(0),
      gone: Joi.number().integer().min(0).max(200).default(0),
      runsNow: Joi.number().min(0).max(1).required(),
      runsMended: Joi.number().min(Joi.ref('runsNow')).max(1).required(),
      boardMinor: Joi.number().min(0).required(),
      figures: ownFigures,
      donorContacts: Joi.number().integer().min(0).default(0),
      socketMinor: Joi.number().min(0).allow(null).default(null),
      exchangeMinor: Joi.number().min(0).allow(null).default(null),
      stubShare: Joi.number().greater(0).max(1).default(0.55),
    }),
    ({ figures, ...question }) => ({ ways: replacementWays(question, figuresOf(figures)) }),
  ),

  'socket.giveback': operation<
    FieldInput & { marks: Marks; looked: readonly string[]; boardMinor: number; figures: OwnFigures }
  >(
    'Contacts that are gone, one by one: which are worth giving back, how, and what leaving each would cost.',
    oneField({
      marks: marks.required(),
      looked: Joi.array().items(name).default([]),
      boardMinor: Joi.number().min(0).required(),
      figures: ownFigures,
    }),
    ({ marks: seen, looked, boardMinor, figures, ...rest }) => ({
      contacts: giveBack(socketOf(rest, seen), {
        marks: seen,
        looked,
        boardMinor,
        figures: figuresOf(figures),
      }),
    }),
  ),
}
