/** What a sum of costs assumes, in words. */
export const ASSUMPTION_NAMES: Record<string, string> = {
  trade_factor: "Our factor on the trade price",
  retail_factor: "A service’s factor on the trade price",
  tax_percent: "Tax, in %",
  hour_rate: "Our hour",
  travel: "Our way there",
  lost_per_hour: "Lost production an hour",
  open_hours_per_day: "Hours of production a day",
  service_callout: "A service’s call-out",
  service_hours: "A service’s hours",
  service_hour_rate: "A service’s hour",
  service_days: "Days until a service comes",
};
