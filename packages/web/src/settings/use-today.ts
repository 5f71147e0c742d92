import { todayIn } from '@tessellum/core/measure/today'
import dayjs, { type Dayjs } from 'dayjs'
import { useShopSettings } from './use-shop-settings'

/** The day it is in the shop, whatever the clock of this browser says. */
export const useToday = (): Dayjs => dayjs(todayIn(useShopSettings().profile.timeZone))
