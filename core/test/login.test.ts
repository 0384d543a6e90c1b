import { expect, it } from 'vitest'
import { passwordOfLogin } from '@pasado/core/secrets/login'

it.each([
  ['admin / tide-7 table', 'tide-7 table'],
  ['admin/tide/7', 'tide/7'],
  ['admin: tide', 'tide'],
  ['admin | tide', 'tide'],
  ['admin tide 7', 'tide 7'],
  ['  admin  /  tide  ', 'tide'],
  ['tide', 'tide'],
  ['admin /', '/'],
  ['', '']
])('of the login %j the password is %j', (login, password) => {
  expect(passwordOfLogin(login)).toBe(password)
})
