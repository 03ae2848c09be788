import { Measure } from './measure';
import type { PageSurvey } from './page_survey';

// What a page moves before anybody asks is told as well.
const measure = new Measure(() => undefined, true);

/** Returns a page measured as it stands now, for a program that has it in a window of its own. */
export function survey(): PageSurvey {
	return measure.survey();
}
