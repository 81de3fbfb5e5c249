// blocks are drawn, and run, in the browser
export const ssr = false;
export const load = ({ data }) => data;
