// programs are drawn and rehearsed in the browser
export const ssr = false;
