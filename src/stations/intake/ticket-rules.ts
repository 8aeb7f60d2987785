import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { readMoney } from '@/core/reader'
import type { TicketForm } from './ticket-form'

const money = (currency: string) =>
  Joi.string()
    .allow('')
    .custom((value: string, helpers) =>
      Number.isNaN(readMoney({ currency }, value)) ? helpers.error('money') : value,
    )
    .messages({ money: 'An amount, like 450 or 450,50.' })

export const ticketSchema = (currency: string) =>
  Joi.object<TicketForm>({
    value: money(currency),
    limit: money(currency),
    minutes: Joi.string()
      .allow('')
      .pattern(/^\d{1,5}$/)
      .messages({ '*': 'Whole minutes at the bench, like 90.' }),
  }).unknown()

export const ticketRules = (currency: string) => joiResolver(ticketSchema(currency))
