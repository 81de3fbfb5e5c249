// thirty open it at once: the school computer sends what stands on it, and each browser draws it
export const ssr = false;
export const load = ({ data }) => data;
