export { calendarOf, closeFeed, feedCalendar, feeds, openFeed, type Feed } from './feeds';
export { holidayCountries, holidayDates, holidayRegions, refreshHolidays, type Choice } from './holidays';
