// what is typed before the page takes it would be lost
export const ssr = false;
export const load = ({ data }) => data;
