'use server'
import Joi from 'joi'
import { revalidatePath } from 'next/cache'
import { putByLink } from '@/server/put-by-link'
import { openedQuestion } from '@/server/opinion'
import { sameOrigin } from '@/server/signed-in'

export interface OpinionGiven {
  readonly say: string
  readonly fault: string
  /** What was written, so that nothing is lost when it is refused. */
  readonly text: string
  readonly by: string
}

/** Answers a question takes: its link is open to whoever has it. */
const MOST_ANSWERS = 20

const given = Joi.object({
  token: Joi.string().required(),
  by: Joi.string()
    .trim()
    .min(1)
    .max(80)
    .required()
    .messages({ '*': 'Who are you? Your name, 80 letters at most.' }),
  text: Joi.string()
    .trim()
    .min(1)
    .max(2000)
    .required()
    .messages({ '*': 'What do you see? One to 2,000 letters.' }),
}).unknown()

/** Puts a second opinion on the tape, as a claim, and nothing else. */
export async function giveOpinionAction(_: OpinionGiven, form: FormData): Promise<OpinionGiven> {
  const raw = Object.fromEntries(form)
  const kept = { text: String(raw.text ?? ''), by: String(raw.by ?? '') }
  const refused = (fault: string): OpinionGiven => ({ say: '', fault, ...kept })
  const { error, value } = given.validate(raw)
  if (error) return refused(error.message)
  const { token, by, text } = value as { token: string; by: string; text: string }
  const question = await openedQuestion(token)
  if (!question || !(await sameOrigin()))
    return refused('This link opens nothing any more. Ask the workshop for another.')
  if (question.sees.answers.length >= MOST_ANSWERS)
    return refused(`This question has ${MOST_ANSWERS} answers already. The workshop has to ask anew.`)
  const body = { text, opinion: { asked: question.asked, by } }
  const fault = await putByLink(question, `${by}, asked`, question.seq, 'claim', body)
  if (fault) return refused(fault)
  revalidatePath(`/opinion/${token}`)
  return { say: 'Thank you. The workshop sees it at once.', fault: '', text: '', by }
}
