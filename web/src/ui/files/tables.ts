/** The files that tables are read from: text parted by commas and its kin, and workbooks. */
export const tableFiles =
	".csv,.tsv,.txt,.xlsx,.xls,text/csv,application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";
