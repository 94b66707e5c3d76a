/** Items of a long list that are fetched at once: what a window of usual size shows, and a little more. */
export const LIST_PAGE = 60;
