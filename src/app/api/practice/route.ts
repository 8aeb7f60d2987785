import { historyItems } from '@/core/board/history-item'
import Joi from 'joi'
import { bodyJson } from '@/server/body'
import { forAccount, refuse } from '@/server/answers'
import { drawExercise, exercises } from '@/shop/practice/exercises'
import { layExercise } from '@/shop/practice/lay-exercise'

const asked = Joi.object({
  /** Made by the client, so that a retry never lays two. */
  id: Joi.string().uuid().required(),
  exercise: Joi.valid('drawn', ...exercises.map((e) => e.id)).required(),
  history: Joi.array()
    .items(Joi.valid(...historyItems))
    .unique()
    .default([]),
  howMany: Joi.valid('one', 'two', 'any').default('any'),
  seed: Joi.number().integer().min(0).max(2_147_483_647).required(),
})

/** Lays a practice board on the simulated bench: one of the exercises, or one that is drawn. */
export async function POST(request: Request) {
  return forAccount(request, async (account) => {
    const { error, value } = asked.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'exercise'))
    const { id, exercise, history, howMany, seed } = value as {
      id: string
      exercise: string
      history: readonly (typeof historyItems)[number][]
      howMany: 'one' | 'two' | 'any'
      seed: number
    }
    const picked = exercises.find((e) => e.id === exercise) ?? drawExercise(history, howMany, seed)
    return Response.json({ tag: await layExercise(id, picked, seed, account) })
  })
}
