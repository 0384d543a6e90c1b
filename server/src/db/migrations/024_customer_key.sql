-- oldest program: 10
-- Homes by their customer's name as it is written: two common words are looked up together, as streets are by their key already.
ALTER TABLE homes ADD KEY IF NOT EXISTS by_customer (customer, id);
