-- When the app was started last, and when revisions were thinned out last: by them a clock that leaps is noticed.
CREATE TABLE IF NOT EXISTS app_start (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT,
  started_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id)
) ENGINE = InnoDB;
CREATE TABLE IF NOT EXISTS thinned (
  id TINYINT UNSIGNED NOT NULL,
  last_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id)
) ENGINE = InnoDB;
