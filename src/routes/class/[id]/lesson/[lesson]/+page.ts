// its words are cleaned in the browser
export const ssr = false;
export const load = ({ data }) => data;
