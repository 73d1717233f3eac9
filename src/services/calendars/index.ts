export { calendarOf, closeFeed, feedCalendar, feeds, openFeed, type Feed } from './feeds';
export {
  holidayCountries,
  holidayDates,
  holidayRegions,
  holidaysOf,
  refreshHolidays,
  type Choice,
  type Holiday,
} from './holidays';
